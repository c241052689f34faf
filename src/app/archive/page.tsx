import type { Metadata } from "next";
import { Archive } from "@/ui/archive/archive";
import { Screen } from "@/ui/kit/screen";

export const metadata: Metadata = { title: "Archive" };

export default function Page() {
  return (
    <Screen>
      <Archive />
    </Screen>
  );
}
