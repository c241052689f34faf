import type { Metadata } from "next";
import { Suspense } from "react";
import { Plugins } from "@/ui/plugins/plugins";

export const metadata: Metadata = { title: "Plugins" };

export default function Page() {
  return (
    <Suspense>
      <Plugins />
    </Suspense>
  );
}
