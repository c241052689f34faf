import type { Metadata } from "next";
import { Suspense } from "react";
import { Library } from "@/ui/library/library";

export const metadata: Metadata = { title: "Library" };

export default function Page() {
  return (
    <Suspense>
      <Library />
    </Suspense>
  );
}
