import { Told } from '@/shared/api/client'
import { served } from '@/shared/servicePath'

/** Send a file, telling its share of 1 on the way; what the service answers. Told with its sentence where it refuses. */
export function upload<T>(path: string, file: Blob, along: (share: number) => void): Promise<T> {
  return new Promise((done, failed) => {
    const request = new XMLHttpRequest()
    request.open('POST', served(path))
    request.setRequestHeader('content-type', 'application/octet-stream')
    request.responseType = 'json'
    request.upload.onprogress = (e) => e.lengthComputable && along(e.loaded / e.total)
    request.onerror = () =>
      failed(
        new Told('Rain Porch does not answer. Is it still running? Nothing is lost; try again.', null, 0),
      )
    request.onload = () =>
      request.status < 300
        ? done(request.response as T)
        : failed(new Told(request.response?.message ?? 'The file was not taken.', null, request.status))
    request.send(file)
  })
}
