import type { Metadata } from "next";
import { Screen } from "@/ui/kit/screen";
import { Projects } from "@/ui/projects/projects";

export const metadata: Metadata = { title: "Projects" };

export default function Page() {
  return (
    <Screen>
      <Projects />
    </Screen>
  );
}
