import type { Metadata } from "next";
import { Screen } from "@/ui/kit/screen";
import { Plugins } from "@/ui/plugins/plugins";

export const metadata: Metadata = { title: "Plugins" };

export default function Page() {
  return (
    <Screen>
      <Plugins />
    </Screen>
  );
}
