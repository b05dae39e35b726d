/** What only runs in Node: projects in folders, files on disk. */

export { crsTable } from './earth/crsTable.ts';
export { fileSource } from './formats/fileSource.ts';
export { inThread, type JobRunner } from './engine/runner.ts';
export { threadRunner } from './engine/threads.ts';
export { type FolderOptions, folderStore } from './storage/folder.ts';
