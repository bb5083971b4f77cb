import type { Href } from 'expo-router';

/** A path of this site, as the server takes it too: what stands in an address may have been put there by anybody. */
const PLACE = /^\/(?!\/)[\w/-]*$/;

/** Where an address asks to go on; the list of builds where it asks for anything else than a page of ours. */
export const ownPlace = (at: string | undefined): Href => (at !== undefined && PLACE.test(at) ? (at as Href) : '/');
