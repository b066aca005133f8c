/** A picture of the sample studio, for who has none at hand; nothing where it cannot be had. */
export async function ourPicture(): Promise<File | undefined> {
  const response = await fetch(new URL('../../../demo/pictures/workbench.jpg', import.meta.url)).catch(() => undefined);
  return response?.ok ? new File([await response.blob()], 'A workbench.jpg', { type: 'image/jpeg' }) : undefined;
}
