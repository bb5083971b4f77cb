/** Who is signed in on the devices of the checks. */
export const ACCOUNT = {
  builderId: '00000000-0000-4000-8000-0000000b0b0b',
  builderName: 'Mara',
  role: 'owner',
  shopId: '00000000-0000-4000-8000-00000000f00d',
  shopName: 'Fennel Yard',
  zeroRule: null,
  readRule: null,
} as const;
