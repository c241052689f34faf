import type { Metadata } from "next";
import { Screen } from "@/ui/kit/screen";
import { WrapUp } from "@/ui/wrap-up/wrap-up";

export const metadata: Metadata = { title: "Wrap-up" };

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  return (
    <Screen>
      <WrapUp id={id} />
    </Screen>
  );
}
