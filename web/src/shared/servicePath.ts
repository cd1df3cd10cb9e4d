/** The path under which the service lies, as its page says: "" or, behind a proxy, such as "/porch". */
export const SERVICE_PATH =
  document.querySelector<HTMLMetaElement>('meta[name="service-path"]')?.content.replace(/\/$/, '') ?? ''

/** An address of the service, as it is asked from here. */
export const served = (path: string) => `${SERVICE_PATH}${path}`
