/// <reference types="astro/client" />

declare module '@lithagon/core/crs-table.json?url' {
  const url: string;
  export default url;
}
