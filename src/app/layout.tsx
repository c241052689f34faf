import "@fontsource-variable/atkinson-hyperlegible-mono/index.css";
import "@fontsource-variable/atkinson-hyperlegible-next/index.css";
import "@fontsource-variable/newsreader/index.css";
import "@fontsource-variable/newsreader/wght-italic.css";
import "./globals.css";
import type { Metadata } from "next";
import { cookies } from "next/headers";
import { connection } from "next/server";
import type { ReactNode } from "react";
import { Frame } from "@/ui/frame/frame";
import { Providers } from "@/ui/frame/providers";

export const metadata: Metadata = { title: { default: "Diathesis", template: "%s · Diathesis" } };

/** Dynamic on purpose: only then do the page's scripts carry the nonce of its content policy. */
export default async function Layout({ children }: { children: ReactNode }) {
  await connection();
  const chosen = (await cookies()).get("theme")?.value;
  const theme = chosen === "day" || chosen === "lamp" ? chosen : null;
  return (
    <html lang="en" {...(theme ? { "data-theme": theme } : {})}>
      <body>
        <Providers>
          <Frame theme={theme}>{children}</Frame>
        </Providers>
      </body>
    </html>
  );
}
