import type { Metadata } from "next";
import { Screen } from "@/ui/kit/screen";
import { TwoProjects } from "@/ui/past/two-projects";

export const metadata: Metadata = { title: "Two projects" };

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  return (
    <Screen>
      <TwoProjects id={id} />
    </Screen>
  );
}
