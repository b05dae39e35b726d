/** What only runs in Node: projects in folders, files on disk. */

export { crsTable } from './earth/crsTable.ts';
export { threadRunner } from './engine/threads.ts';
export { fileSource } from './formats/fileSource.ts';
export { type FolderOptions, folderStore } from './storage/folder.ts';
