import type { Metadata } from "next";
import { Screen } from "@/ui/kit/screen";
import { Library } from "@/ui/library/library";

export const metadata: Metadata = { title: "Library" };

export default function Page() {
  return (
    <Screen>
      <Library />
    </Screen>
  );
}
