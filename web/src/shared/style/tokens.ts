/** The colour tokens by theme: the one place where they are written for the screen. */
export const DAY = {
  slate: '#24404E',
  mist: '#EDF2F3',
  paper: '#FFFFFF',
  cedar: '#A4572F',
  moss: '#3E6A4B',
  rain: '#2A6596',
  lamp: '#D9A227',
  clay: '#B23A48',
  quiet: '#55696F',
  line: '#D3DDE0',
  land: '#F1F3EF',
  water: '#CFE2EA',
  park: '#DDE9D7',
  school: '#EDE7D6',
  building: '#DCD6CC',
  road: '#FFFFFF',
  highway: '#E6CDA6',
}

export const NIGHT: typeof DAY = {
  slate: '#DDE8EB',
  mist: '#131D23',
  paper: '#1B2930',
  cedar: '#E59A68',
  moss: '#86BE95',
  rain: '#82B7E0',
  lamp: '#D9A227',
  clay: '#F08A94',
  quiet: '#A3B5BC',
  line: '#33444D',
  land: '#1A262C',
  water: '#20404F',
  park: '#23352B',
  school: '#332F22',
  building: '#35403F',
  road: '#35464F',
  highway: '#5E4C33',
}

export type Tokens = typeof DAY
