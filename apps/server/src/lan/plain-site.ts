import { Hono } from 'hono';
import { secureHeaders } from 'hono/secure-headers';

interface PlainSite {
  /** The authority that a phone takes in; null where the certificate is one that every browser knows. */
  readonly authority: { readonly file: Buffer; readonly fingerprint: string } | null;
  readonly port: number;
}

/** A host as a browser may name it: nothing that could break out of the page it is written into. */
const HOST = /^[a-z0-9.-]+$|^\[[0-9a-f:]+\]$/i;

/** Where the page leads on to: the same host that it was asked for by, over TLS. */
function secureAddress(host: string | undefined, port: number): string | null {
  const name = host?.replace(/:\d+$/, '') ?? '';
  return HOST.test(name) ? `https://${name}:${port}` : null;
}

/** What a browser gets that comes over plain http from elsewhere: how it comes to trust this shop, and nothing else of it. */
export function plainSite({ authority, port }: PlainSite) {
  const site = new Hono();
  site.use(async (c, next) => {
    const to = secureAddress(c.req.header('host'), port);
    return secureHeaders({
      contentSecurityPolicy: {
        defaultSrc: ["'self'"],
        styleSrc: ["'unsafe-inline'"],
        connectSrc: to ? [to] : ["'none'"],
        frameAncestors: ["'none'"],
      },
      // The next visit must be able to read this page again.
      strictTransportSecurity: false,
    })(c, next);
  });
  site.use(async (c, next) => {
    await next();
    c.header('Cache-Control', 'no-store');
  });
  if (authority)
    site.get('/authority.crt', (c) =>
      c.body(new Uint8Array(authority.file), 200, {
        'Content-Type': 'application/x-x509-ca-cert',
        'Content-Disposition': 'attachment; filename="yosoku-certificate.crt"',
      }),
    );
  site.get('/lead-on.js', (c) => c.body(LEAD_ON, 200, { 'Content-Type': 'text/javascript' }));
  site.get('*', (c) => {
    const to = secureAddress(c.req.header('host'), port);
    if (!to) return c.text('Open this page by the address that the terminal shows.', 400);
    if (!authority) return c.redirect(`${to}${new URL(c.req.url).pathname}`, 302);
    return c.html(page(to, authority.fingerprint));
  });
  site.all('*', (c) => c.text('Yosoku answers over https only. Nothing was changed.', 426));
  return site;
}

/** Goes on by itself as soon as the browser trusts the other side. */
const LEAD_ON = `const to = document.documentElement.dataset.to;
const look = () => fetch(to + '/api/health/live', { mode: 'no-cors' }).then(() => location.replace(to + location.pathname + location.hash), () => setTimeout(look, 3000));
look();
`;

interface Way {
  readonly system: string;
  readonly steps: readonly string[];
}

/** As the systems call it. From memory: menus move from year to year. */
const WAYS: readonly Way[] = [
  {
    system: 'iPhone, iPad',
    steps: [
      'Tap “Download the certificate” in Safari and allow it.',
      'Settings: “Profile Downloaded”, at the top. Install it.',
      'Settings, General, About, Certificate Trust Settings: switch it on.',
    ],
  },
  {
    system: 'Android',
    steps: [
      'Tap “Download the certificate”.',
      'Settings, Security, Encryption and credentials, Install a certificate, CA certificate. Choose the file that was downloaded.',
    ],
  },
  {
    system: 'Windows',
    steps: [
      'Download it and open it.',
      'Install Certificate, Current User, “Trusted Root Certification Authorities”.',
      'Firefox asks its own settings: Certificates, View Certificates, Authorities, Import.',
    ],
  },
  {
    system: 'Mac',
    steps: ['Download it and open it: it goes into Keychain Access.', 'There open it, Trust, “Always Trust”.'],
  },
  {
    system: 'Linux',
    steps: ['Browser settings, Certificates, Authorities, Import. Trust it to identify websites.'],
  },
];

const list = ({ system, steps }: Way): string =>
  `<details><summary>${system}</summary><ol>${steps.map((step) => `<li>${step}</li>`).join('')}</ol></details>`;

const page = (to: string, fingerprint: string): string => `<!doctype html>
<html lang="en" data-to="${to}">
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<title>Yosoku: trust this shop, once</title>
<style>
:root{color-scheme:light dark;--ground:#F5F0E4;--ink:#1D1B16;--soft:#655D49;--hair:#D3C9AE;--brass:#8A5F06;--on:#F5F0E4}
@media(prefers-color-scheme:dark){:root{--ground:#11173A;--ink:#EEF2FF;--soft:#A9B5E6;--hair:#2C376F;--brass:#E3BB5C;--on:#11173A}}
body{margin:0 auto;max-width:640px;padding:24px 16px 48px;background:var(--ground);color:var(--ink);font:18px/1.4 'Barlow Semi Condensed',system-ui,sans-serif}
h1{font-size:30px;line-height:1.15;margin:0 0 12px}
p{margin:0 0 16px}
a.go{display:block;padding:16px;background:var(--brass);color:var(--on);font-weight:600;text-align:center;text-decoration:none}
a.on{color:var(--brass);font-weight:600}
a:focus-visible,summary:focus-visible{outline:3px solid var(--brass);outline-offset:2px}
details{border-top:1px solid var(--hair)}summary{padding:14px 0;font-weight:600;cursor:pointer}
code{display:block;overflow-wrap:anywhere;font:600 17px/1.5 Barlow,monospace;font-variant-numeric:tabular-nums}
.soft{color:var(--soft)}
</style>
<h1>Trust this shop, once</h1>
<p>Yosoku runs on a machine in this shop. This phone cannot know that yet: it has to install the shop’s own certificate, which is good for machines of a private network alone.</p>
<p><a class="go" href="/authority.crt">Download the certificate</a></p>
<p class="soft">Before you trust it, compare its fingerprint (SHA-256) with the one on the bench screen or in the terminal. If they differ, stop: somebody stands in between.</p>
<p><code>${fingerprint.replaceAll(':', ':<wbr>')}</code></p>
${WAYS.map(list).join('\n')}
<p style="border-top:1px solid var(--hair);padding-top:16px">This page goes on by itself once it is trusted. <a class="on" href="${to}">Go on now</a></p>
<script src="/lead-on.js"></script>
</html>
`;
