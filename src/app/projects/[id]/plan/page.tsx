import type { Metadata } from "next";
import { Screen } from "@/ui/kit/screen";
import { PlanScreen } from "@/ui/plan/plan-screen";

export const metadata: Metadata = { title: "Plan" };

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  return (
    <Screen>
      <PlanScreen id={id} />
    </Screen>
  );
}
