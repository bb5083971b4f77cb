import { Hono, type MiddlewareHandler } from 'hono';
import { secureHeaders } from 'hono/secure-headers';

const secure = secureHeaders({
  contentSecurityPolicy: {
    defaultSrc: ["'self'"],
    // React Native for Web writes its styles into the page at run time.
    styleSrc: ["'self'", "'unsafe-inline'"],
    imgSrc: ["'self'", 'data:', 'blob:'],
    objectSrc: ["'none'"],
    formAction: ["'self'"],
    frameAncestors: ["'none'"],
    baseUri: ["'none'"],
  },
  permissionsPolicy: {
    camera: [],
    microphone: [],
    geolocation: [],
    payment: [],
    usb: [],
    // The screen stays awake at the engine.
    screenWakeLock: ['self'],
  },
});

/** They are the same for every answer, and asked of the library once: written into an answer that is there already, they cost as much as the answer. */
const list = Promise.resolve(
  new Hono()
    .use(secure)
    .get('/', (c) => c.body(null))
    .request('/'),
).then((answer) => [...answer.headers]);

/** What a browser is told not to do, with everything that is served: pages, answers and papers alike. */
export const headers: MiddlewareHandler = async (c, next) => {
  for (const [name, value] of await list) c.header(name, value);
  await next();
};
