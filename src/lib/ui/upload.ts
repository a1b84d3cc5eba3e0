import type { PackageListing } from '$lib/shared/types';
import { bytes } from './format';

/** Sending files to the server, with words for what can go wrong before and on the way. */

/** @throws Error in words, where it would be refused anyway: said before anything is sent */
export function refuseFile({ name, size }: Pick<File, 'name' | 'size'>, limit: number): void {
  if (size === 0) throw new Error(`${name} is empty (0 bytes). Export or download it again.`);
  if (size > limit)
    throw new Error(
      `${name} has ${bytes(size)}; files of up to ${bytes(limit)} are taken. Split it, or export less at once.`,
    );
}

interface Uploaded {
  readonly package: PackageListing;
  readonly known: boolean;
}

/**
 * Sends one file as it is. A request of the older kind, since only that tells how much has gone.
 * @param tell bytes sent so far
 * @throws Error in words
 */
export const upload = (file: File, tell: (sent: number) => void): Promise<Uploaded> =>
  new Promise((resolve, reject) => {
    const request = new XMLHttpRequest();
    request.open('POST', `/api/packages?name=${encodeURIComponent(file.name)}`);
    request.setRequestHeader('Content-Type', 'application/octet-stream');
    request.responseType = 'json';
    request.upload.onprogress = ({ loaded }) => tell(loaded);
    request.onerror = () =>
      reject(new Error('The server did not answer. The file is still on your computer; drop it again.'));
    request.onload = () => {
      const said = request.response as (Uploaded & { readonly message?: string }) | null;
      if (request.status < 300 && said) resolve(said);
      else reject(new Error(said?.message ?? 'The server could not take the file. Drop it again.'));
    };
    request.send(file);
  });
