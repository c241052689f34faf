import type { Metadata } from "next";
import { Incoming } from "@/ui/archive/incoming";
import { Screen } from "@/ui/kit/screen";

export const metadata: Metadata = { title: "Bring in" };

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  return (
    <Screen>
      <Incoming key={id} id={id} />
    </Screen>
  );
}
