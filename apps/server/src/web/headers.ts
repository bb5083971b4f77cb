import { secureHeaders } from 'hono/secure-headers';

/** What a browser is told not to do, with everything that is served: pages, answers and papers alike. */
export const headers = secureHeaders({
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
