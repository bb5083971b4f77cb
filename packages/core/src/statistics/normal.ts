/** Two-sided 95 % point of the normal distribution: so many standard uncertainties hold 95 % (JCGM 100:2008, table G.1). */
export const NORMAL_95 = 1.96;
