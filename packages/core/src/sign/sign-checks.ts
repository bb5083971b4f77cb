/** What is looked at before a build is signed. Common practice, no source; the engine maker's manual has the last word. */
export type SignCheckName = 'fasteners' | 'locking' | 'trigger' | 'tools-out' | 'turned-over' | 'clearance' | 'lash';

export interface SignCheck {
  readonly title: string;
  readonly why: string;
}

export const SIGN_CHECKS: Readonly<Record<SignCheckName, SignCheck>> = {
  fasteners: {
    title: 'Every fastener of the drive at its torque',
    why: 'By the maker’s manual: gear, tensioner, guides, adjuster. An adjuster that slips is a cam that moves.',
  },
  locking: {
    title: 'Locked as the manual says',
    why: 'Tabs bent, wire tied, compound cured, new bolts where it asks for new ones.',
  },
  trigger: {
    title: 'Trigger teeth and sensor as they were; distributor or cam sensor clocked again',
    why: 'A cam that has been moved takes its trigger with it: the pattern must still be what the engine’s computer expects. A distributor or sensor driven by the cam is set anew at the TDC that the manual names, its tang never forced.',
  },
  'tools-out': {
    title: 'Stop, indicator, degree wheel and lifters made solid for measuring out; plugs in',
    why: 'A piston stop left in its hole goes through the piston at the first turn of the starter.',
  },
  'turned-over': {
    title: 'Turned by hand through two full turns',
    why: 'Without any resistance that cannot be explained, marks back together after the second.',
  },
  clearance: {
    title: 'Valve-to-piston clearance checked as it stands now',
    why: 'Every move changes it: advancing takes from the intake, retarding from the exhaust.',
  },
  lash: {
    title: 'Lash set for running, checking springs exchanged',
    why: 'What was set for measuring is not what it runs with.',
  },
};

/** What the cam gives its time to, by what is asked after a move. */
const TRIGGERS = {
  distributor: {
    title: 'Distributor clocked again; trigger teeth as they were',
    why: 'A cam that has been moved takes its distributor with it: rotor to the terminal of cylinder 1 at the TDC that the manual names, its tang or gear never forced, and the timing set with a light.',
  },
  sensor: {
    title: 'Cam sensor clocked again; trigger teeth as they were',
    why: 'A cam that has been moved takes its sensor’s wheel with it: the pattern must still be what the engine’s computer expects at the TDC that the manual names.',
  },
  neither: {
    title: 'Trigger teeth of the crank as they were',
    why: 'Nothing takes its time from the cam here; a crank gear or balancer that was off must carry the same teeth in the same place.',
  },
} as const satisfies Readonly<Record<string, SignCheck>>;

/**
 * A check as this engine has it.
 * @param camDrives what takes its time from the cam; null where nobody has said.
 */
export const signCheckOf = (check: SignCheckName, camDrives: keyof typeof TRIGGERS | null): SignCheck =>
  check === 'trigger' && camDrives !== null ? TRIGGERS[camDrives] : SIGN_CHECKS[check];

export const SIGN_CHECK_NAMES = Object.keys(SIGN_CHECKS) as [SignCheckName, ...SignCheckName[]];
