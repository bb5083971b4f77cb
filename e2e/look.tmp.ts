import { writeFileSync } from 'node:fs';
import { openBrowser, signIn, axeViolations, PHONE, WIDE } from './browser';
const base = process.env.BASE ?? 'http://127.0.0.1:8787';
const what = process.argv[2] === 'wide' ? WIDE : PHONE;
const tag = process.argv[2] === 'wide' ? 'w' : 'p';
(async () => {
  const b = await openBrowser(base, what);
  try {
    await b.visit('/sign-in');
    await b.find('[data-testid="sign-in"]');
    await b.driver.sleep(500);
    writeFileSync(`/tmp/shots/${tag}-signin.png`, await b.picture());
    console.log('axe signin', await axeViolations(b));
    await signIn(b, 'mara', 'layout-dye-demo');
    if (process.argv[3]) {
      await b.visit('/shop');
      await b.pressText(process.argv[3] === 'dark' ? 'Dye (dark)' : 'Sheet (light)');
      await b.driver.sleep(200);
      await b.visit('/');
      await b.find('[data-testid="build"]');
    }
    await b.driver.sleep(600);
    writeFileSync(`/tmp/shots/${tag}-builds.png`, await b.picture());
    console.log('axe builds', await axeViolations(b));
    const links = await b.driver.executeScript<string[]>(
      `return [...document.querySelectorAll('a[data-testid=build]')].map(a=>a.getAttribute('href')+' '+a.innerText.split('\\n')[0])`,
    );
    console.log(links);
    const id = (n: string) => links.find((l) => l.includes(n))!.split('/')[2];
    const pages = (
      process.argv[4] ?? 'zero:Old Tarn,zero:Kestrel,read:Alder,decide:Kestrel,card:Kestrel,sheet:Kestrel'
    ).split(',');
    for (const p of pages) {
      const [route, name] = p.split(':');
      await b.visit(name ? `/builds/${id(name)}/${route}` : route!);
      await b.driver.sleep(1300);
      writeFileSync(
        `/tmp/shots/${tag}-${route!.replace(/\//g, '_')}-${(name ?? '').slice(0, 3)}.png`,
        await b.picture(),
      );
      console.log(
        'axe',
        p,
        await axeViolations(b),
        await b.driver.executeScript(
          'return [document.documentElement.scrollWidth, document.documentElement.scrollHeight]',
        ),
      );
    }
    const logs = await b.driver.manage().logs().get('browser');
    console.log(logs.map((l) => l.message).slice(0, 10));
  } finally {
    await b.close();
  }
})();
