import { config } from 'zod';

// The page's security policy forbids code made at run time; without this zod would try it and be refused.
config({ jitless: true });
