import type { Metadata } from "next";
import { Screen } from "@/ui/kit/screen";
import { Sweep } from "@/ui/wrap-up/sweep";

export const metadata: Metadata = { title: "Wrap-up of projects" };

export default function Page() {
  return (
    <Screen>
      <Sweep />
    </Screen>
  );
}
