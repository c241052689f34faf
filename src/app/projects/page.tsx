import type { Metadata } from "next";
import { Projects } from "@/ui/projects/projects";

export const metadata: Metadata = { title: "Projects" };

export default function Page() {
  return <Projects />;
}
