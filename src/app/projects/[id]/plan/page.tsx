import type { Metadata } from "next";
import { Suspense } from "react";
import { PlanScreen } from "@/ui/plan/plan-screen";

export const metadata: Metadata = { title: "Plan" };

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  return (
    <Suspense>
      <PlanScreen id={id} />
    </Suspense>
  );
}
