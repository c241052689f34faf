export default function Page() {
  return <p>Diathesis</p>;
}
