import autocannon from 'autocannon';
import { spawn } from 'node:child_process';
import { v7 as uuidv7 } from 'uuid';

/** Posts single entries to the real route and to a bare INSERT in turn, and compares them round by round. */

const CONNECTIONS = 16;
const SECONDS = 4;
const ROUNDS = 5;

const median = (values) => values.toSorted((a, b) => a - b)[Math.floor(values.length / 2)];

async function openBuild(base, headers, builderId) {
  const buildId = uuidv7();
  const entry = {
    id: uuidv7(),
    buildId,
    kind: 'build.described',
    takenAt: new Date().toISOString(),
    builderId,
    body: {
      replaces: null,
      name: 'Bench build',
      engine: { cylinders: 4, firingOrder: [1, 3, 4, 2], rotation: 'clockwise' },
      wheel: { ring: '0-180' },
      units: 'in',
    },
  };
  const answer = await fetch(`${base}/api/builds`, { method: 'POST', headers, body: JSON.stringify({ entry }) });
  if (answer.status !== 201) throw new Error(await answer.text());
  return buildId;
}

const contact = (buildId, builderId) => ({
  id: uuidv7(),
  buildId,
  kind: 'zero.reading',
  takenAt: new Date().toISOString(),
  builderId,
  body: {
    zero: uuidv7(),
    setting: null,
    pass: uuidv7(),
    side: 'before',
    wheel: { ring: '0-180', shows: 26.5, side: 'after' },
  },
});

/** As many phones as connections, each posting one entry after the other. */
function load(base, headers, requestFor) {
  let count = 0;
  return autocannon({
    url: base,
    connections: CONNECTIONS,
    duration: SECONDS,
    requests: [
      {
        method: 'POST',
        setupRequest(request) {
          count += 1;
          const { path, body } = requestFor(count % CONNECTIONS);
          return { ...request, path, headers, body: JSON.stringify(body) };
        },
      },
    ],
  });
}

export async function benchPosts(program, databaseUrl, settings, port) {
  const server = spawn(process.execPath, [program], {
    env: { ...process.env, DATABASE_URL: databaseUrl, ...settings, PORT: String(port) },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  try {
    const { builderId, signInName } = await new Promise((resolve, reject) => {
      server.stdout.once('data', (line) => resolve(JSON.parse(line)));
      server.once('exit', (code) => reject(new Error(`the server to be measured ended with ${code}`)));
    });
    const base = `http://127.0.0.1:${port}`;
    const json = { 'content-type': 'application/json', origin: base };
    const signIn = await fetch(`${base}/api/session`, {
      method: 'POST',
      headers: json,
      body: JSON.stringify({ signInName, password: 'a-bench-password' }),
    });
    const headers = { ...json, cookie: signIn.headers.get('set-cookie').split(';')[0] };
    const builds = [];
    for (let i = 0; i < CONNECTIONS; i += 1) builds.push(await openBuild(base, headers, builderId));

    const real = [];
    const bare = [];
    for (let round = 0; round <= ROUNDS; round += 1) {
      const entry = (phone) => contact(builds[phone], builderId);
      const a = await load(base, json, (phone) => ({ path: '/bare', body: entry(phone) }));
      const b = await load(base, headers, (phone) => ({
        path: `/api/builds/${builds[phone]}/entries`,
        body: { entries: [entry(phone)] },
      }));
      if (a.non2xx + b.non2xx > 0) throw new Error(`${a.non2xx} bare and ${b.non2xx} real posts were refused`);
      // The first round warms both up.
      if (round > 0) {
        bare.push(a);
        real.push(b);
      }
    }
    const figures = (runs) => ({
      perSecond: median(runs.map((run) => run.requests.average)),
      p50: median(runs.map((run) => run.latency.p50)),
      p99: median(runs.map((run) => run.latency.p99)),
    });
    const ratios = real.map((run, at) => run.requests.average / bare[at].requests.average);
    return {
      connections: CONNECTIONS,
      rounds: ROUNDS,
      real: figures(real),
      bare: figures(bare),
      ratio: median(ratios),
      ratios,
    };
  } finally {
    if (server.exitCode === null) {
      server.kill('SIGTERM');
      await new Promise((resolve) => server.on('exit', resolve));
    }
  }
}
