// The page's security policy forbids code made at run time; without this zod would try it and be refused. It is said where zod looks for its
// settings, before zod is there: the first page does without it.
Object.assign(globalThis, { __zod_globalConfig: { jitless: true } });

export {};
