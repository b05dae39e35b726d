/** Where the start page says that raw files are to be offered for loading. */
export const RAW_KEY = 'lithagon-raw-files';

interface Manifest {
  files: { file: string; kind: string }[];
}

/** Fetch the demo's raw files as if they had been dropped. */
export async function fetchRawFiles(
  origin: string,
  onProgress: (part: number) => void,
  signal: AbortSignal,
): Promise<File[]> {
  const manifest = (await (await fetch(`${origin}/manifest.json`, { signal })).json()) as Manifest;
  const wanted = manifest.files;
  const files: File[] = [];
  for (const { file } of wanted) {
    const response = await fetch(`${origin}/${file}`, { signal });
    if (!response.ok) throw new Error(`${file} could not be fetched.`);
    files.push(new File([await response.blob()], file));
    onProgress(files.length / wanted.length);
  }
  return files;
}
