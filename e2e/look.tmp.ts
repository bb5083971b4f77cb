import { writeFileSync } from 'node:fs';
import { PHONE, WIDE, openBrowser, signIn } from './browser';
const BASE = 'http://127.0.0.1:8787';
async function open(b: any, name: string, place: string) {
  await b.visit('/'); await b.find('[data-testid="build"]');
  const a = await b.driver.executeScript(`return [...document.querySelectorAll('a[data-testid=build]')].find((l) => l.innerText.includes(arguments[0]))?.getAttribute('href')`, name);
  await b.visit((a as string).replace(/[^/]+$/, place)); await b.find('[role=main]'); await b.driver.sleep(700);
}
async function tall(b: any, w: number, h: number, mobile: boolean) { await b.driver.sendDevToolsCommand('Emulation.setDeviceMetricsOverride', { width: w, height: h, deviceScaleFactor: 1, mobile }); await b.driver.sleep(400); }
async function main() {
  const b: any = await openBrowser(BASE, PHONE);
  try {
    await signIn(b, 'mara', 'layout-dye-demo');
    for (const [n, f] of [['Kestrel','k'],['Gannet','g'],['Quarry','q']]) { await open(b, n!, 'decide'); await tall(b, 390, f==='k'?844:1900, true); writeFileSync(`/tmp/p-${f}.png`, await b.picture()); await tall(b,390,844,true); }
    await open(b, 'Gannet', 'what-if'); await b.keys('\uE004'); 
    const s = await b.find('[data-testid="shift-intake"]'); await s.sendKeys('\uE014\uE014\uE014\uE014\uE014\uE014'); await tall(b,390,1700,true); writeFileSync('/tmp/p-w.png', await b.picture());
    await tall(b,390,844,true);
    await open(b, 'Kestrel', 'decide'); await b.press('why'); await b.press('draw'); const t0=Date.now(); await b.seeText('drawn', /million/); console.log('drawn ms', Date.now()-t0, await b.text('drawn')); await tall(b,390,2000,true); writeFileSync('/tmp/p-k2.png', await b.picture());
  } finally { await b.close(); }
}
void main();
