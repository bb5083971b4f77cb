/**
 * Two themes from two things on the bench. Sheet (light): warm paper, dark ink. Dye (dark): layout dye on steel.
 * `brass` is for what one touches, `onBrass` for words on it; `paper` and `onPaper` are what a printer makes, in either.
 */
const dye = {
  ground: '#11173A',
  raised: '#182050',
  hairline: '#2C376F',
  line: '#7482BF',
  ink: '#EEF2FF',
  soft: '#A9B5E6',
  brass: '#E3BB5C',
  onBrass: '#11173A',
  intake: '#58D3BD',
  exhaust: '#F2A06A',
  warning: '#FFD84D',
  danger: '#FF8D79',
  paper: '#FFFFFF',
  onPaper: '#1D1B16',
};

const sheet = {
  ground: '#F5F0E4',
  raised: '#ECE5D3',
  hairline: '#D3C9AE',
  line: '#82785A',
  ink: '#1D1B16',
  soft: '#5E5744',
  brass: '#7F5705',
  onBrass: '#FFF9EA',
  intake: '#0B6E60',
  exhaust: '#A8441D',
  warning: '#8A6500',
  danger: '#A5231A',
  paper: '#FFFFFF',
  onPaper: '#1D1B16',
};

module.exports = { palette: { dye, sheet } };
