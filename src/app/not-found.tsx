import Link from "next/link";

export default function NotFound() {
  return (
    <div className="grid gap-3 px-6 py-10">
      <h1 className="h1">There is nothing at this address</h1>
      <p className="text-soft">It may have been moved or taken out.</p>
      <Link href="/library" className="text-live underline">
        To the library
      </Link>
    </div>
  );
}
