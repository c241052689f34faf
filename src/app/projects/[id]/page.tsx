import type { Metadata } from "next";
import { Ledger } from "@/ui/ledger/ledger";

export const metadata: Metadata = { title: "Project" };

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  return <Ledger id={(await params).id} />;
}
