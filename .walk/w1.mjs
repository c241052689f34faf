import { chromium } from "@playwright/test";
const b = await chromium.launch({ executablePath: "/usr/bin/chromium", args: ["--no-sandbox","--autoplay-policy=no-user-gesture-required"] });
const p = await b.newPage({ viewport: { width: 1280, height: 800 } });
const errs=[]; p.on("console",m=>{if(m.type()==="error")errs.push(m.text().slice(0,200))}); p.on("pageerror",e=>errs.push(String(e).slice(0,300)));
const U="http://127.0.0.1:4890";
const shot=n=>p.screenshot({path:`/tmp/k/walk/${n}.png`});
await p.goto(U+"/library"); await p.waitForTimeout(2500); await p.mouse.click(640,300); await p.waitForTimeout(800); await shot("lib");
await p.keyboard.press("Alt+5"); await p.waitForTimeout(1200); await shot("plugins"); console.log(p.url());
await p.keyboard.press("Alt+1"); await p.waitForTimeout(800);
// card sheet
await p.keyboard.press("e"); await p.waitForTimeout(800); await shot("card");
await p.keyboard.press("Escape"); await p.waitForTimeout(300);
await p.keyboard.press("Control+a"); await p.keyboard.press("t"); await p.waitForTimeout(1000); await shot("card-many"); await p.keyboard.press("Escape");
// bench
await p.goto(U+"/bench?project=salt-lanterns&strip=voice"); await p.waitForTimeout(2500); await p.mouse.click(700,770); await p.waitForTimeout(500); await shot("bench");
const lead=p.getByRole("slider",{name:/^Catch/}).first(); console.log("lead", await lead.count());
const sl=p.getByRole("slider",{name:"Attack"}); console.log("attack", await sl.count());
await p.goto(U+"/bench?preset=harmonium-two-amplifiers"); await p.waitForTimeout(2500);
await p.getByRole("radio",{name:/^Macros/}).click(); await p.waitForTimeout(800); await shot("macros");
await p.goto(U+"/bench?project=neap-tide&strip=ghost-vibes"); await p.waitForTimeout(2000); await p.getByRole("button",{name:"Layer Vibraphone"}).click(); await p.getByRole("radio",{name:"Sounds"}).click().catch(()=>0); await p.waitForTimeout(1200); await shot("layer");
console.log(errs); await b.close();
