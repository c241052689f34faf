import type { Metadata } from "next";
import { Screen } from "@/ui/kit/screen";
import { Ledger } from "@/ui/ledger/ledger";

export const metadata: Metadata = { title: "Project" };

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  return (
    <Screen>
      <Ledger id={id} />
    </Screen>
  );
}
