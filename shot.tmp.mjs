import { chromium } from "@playwright/test";
// usage: node shot.mjs PORT OUT PATH [theme] [WxH] [js steps file]
const [, , port, out, path, theme = "day", size = "1280x800", steps] = process.argv;
const [w, h] = size.split("x").map(Number);
const b = await chromium.launch({
  executablePath: "/usr/bin/chromium",
  args: ["--no-sandbox", "--autoplay-policy=no-user-gesture-required"],
});
const c = await b.newContext({ viewport: { width: w, height: h } });
await c.addCookies([{ name: "theme", value: theme, url: `http://127.0.0.1:${port}` }]);
const p = await c.newPage();
p.on("console", (m) => m.type() === "error" && console.log("ERR", m.text()));
p.on("pageerror", (e) => console.log("PE", e.message));
await p.goto(`http://127.0.0.1:${port}${path}`);
await p.waitForTimeout(1500);
if (steps) {
  const { default: run } = await import(steps);
  await run(p);
}
await p.waitForTimeout(800);
await p.screenshot({ path: out });
await b.close();
