import type { Metadata } from "next";
import { Screen } from "@/ui/kit/screen";
import { Past } from "@/ui/past/past";

export const metadata: Metadata = { title: "Past" };

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  return (
    <Screen>
      <Past id={id} />
    </Screen>
  );
}
