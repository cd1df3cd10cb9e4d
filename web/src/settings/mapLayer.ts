/** One layer of the map as it is typed. from: "" for none, ADDRESS, or the name of a file. */
export interface MapLayer {
  from: string
  address: string
  form: 'raster' | 'vector'
  attribution: string
}
export const ADDRESS: string = ':address'
