import { connection } from "next/server";
import type { ReactNode } from "react";

export default async function Layout({ children }: { children: ReactNode }) {
  await connection();
  return (
    <html lang="en">
      <body>{children}</body>
    </html>
  );
}
