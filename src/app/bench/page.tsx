import type { Metadata } from "next";
import { Screen } from "@/ui/kit/screen";
import { Bench } from "@/ui/bench/bench";

export const metadata: Metadata = { title: "Bench" };

export default function Page() {
  return (
    <Screen>
      <Bench />
    </Screen>
  );
}
