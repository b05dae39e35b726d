import { Command, CommanderError } from 'commander';
import { type Output, pairs, terminal, UsageError } from './output.ts';

// what a call does not need is not read from the disk for it
const out = () => import('./commands/out.ts');
const projects = () => import('./commands/project.ts');
const stepping = () => import('./commands/steps.ts');

const collect = (value: string, before: string[]) => [...before, value];

function program(output: Output, flags: { json: boolean }): Command {
  const lithagon = new Command('lithagon')
    .description('Seismic interpretation, from raw files to volumes, without a screen.')
    .exitOverride()
    .configureOutput({ writeOut: (s) => output.out(s.trimEnd()), writeErr: (s) => output.err(s.trimEnd()) });
  const json = ['--json', 'print one JSON document'] as const;
  const project = ['--project <dir>', 'the project, a folder'] as const;
  const note = (o: { json?: boolean }) => {
    flags.json = o.json === true;
    return flags.json;
  };
  lithagon
    .command('demo')
    .argument('<dir>')
    .option('--seed <n>', 'which earth', '1')
    .option('--size <size>', 'full or small', 'full')
    .description('write the Quillon files')
    .action(async (dir, o) => {
      const seed = Number(o.seed);
      if (!Number.isInteger(seed) || seed < 0) throw new UsageError(`“${o.seed}” is no seed: give a whole number.`);
      if (o.size !== 'full' && o.size !== 'small') throw new UsageError(`“${o.size}” is no size: full or small.`);
      await (await import('./commands/demo.ts')).demo(dir, seed, o.size, output);
    });
  lithagon
    .command('inspect')
    .argument('<files...>')
    .option('--declare <key=value>', 'say what the file cannot', collect, [])
    .option(...json)
    .option('--project <dir>', 'the project that they are meant for, a folder')
    .description('what the readers make of files before anything is loaded')
    .action(async (files, o) => (await projects()).inspect(files, o.project, pairs(o.declare), note(o), output));
  lithagon
    .command('load')
    .argument('<files...>')
    .requiredOption(...project)
    .option('--declare <key=value>', 'say what the file cannot', collect, [])
    .option(...json)
    .description('load files into a project')
    .action(async (files, o) =>
      files.length === 1 && /\.parcel$/i.test(files[0])
        ? (await out()).unpack(files[0], o.project, output)
        : (await projects()).load(files, o.project, pairs(o.declare), note(o), output),
    );
  lithagon
    .command('list')
    .requiredOption(...project)
    .option(...json)
    .description('what a project holds')
    .action(async (o) => (await projects()).list(o.project, note(o), output));
  lithagon
    .command('show')
    .argument('<name>')
    .requiredOption(...project)
    .option(...json)
    .description('facts and trail of one object')
    .action(async (name, o) => (await projects()).show(name, o.project, note(o), output));
  lithagon
    .command('steps')
    .argument('[id]')
    .option(...json)
    .description('every step, or one whole')
    .action(async (id, o) => (await stepping()).steps(id, note(o), output));
  lithagon
    .command('do')
    .argument('<step>')
    .requiredOption(...project)
    .option('--in <role=name>', 'an input', collect, [])
    .option('--set <param=value>', 'a parameter', collect, [])
    .option('--name <name>', 'name of the result')
    .option(...json)
    .description('run one step')
    .action(async (id, o) => (await stepping()).doStep(id, o, note(o), output));
  lithagon
    .command('run')
    .argument('<recipe>')
    .requiredOption(...project)
    .option('--files <dir>', 'where the recipe’s files are')
    .option('--set <step.param=value>', 'another value for a parameter', collect, [])
    .description('load a recipe’s files and run its steps')
    .action(async (path, o) => (await stepping()).run(path, o, output));
  lithagon
    .command('rebuild')
    .argument('[name]')
    .requiredOption(...project)
    .description('make again what is out of date, or what one object rests on')
    .action(async (name, o) => (await out()).rebuildProject(name, o.project, output));
  lithagon
    .command('place')
    .argument('<volume>', 'a volume without coordinates')
    .requiredOption(...project)
    .option('--like <name>', 'a volume that has the same line numbers')
    .option('--corner <inline,crossline,x,y>', 'a bin and its place in metres, three times or more', collect, [])
    .description('give a volume without coordinates its place on the map')
    .action(async (name, o) => (await projects()).place(name, o.project, o, output));
  lithagon
    .command('aside')
    .requiredOption(...project)
    .option('--out <file>', 'write it to a file as it is')
    .option('--discard', 'throw it away')
    .option(...json)
    .description('what in a project cannot be read')
    .action(async (o) => (await out()).asideOf(o.project, o, note(o), output));
  lithagon
    .command('export')
    .argument('<name>', 'an object; “.” for the whole project as a parcel or recipe')
    .argument(
      '<file>',
      'its extension says the format: sgy, las, csv, tif, geojson, vti, vtp, h5, zarr.zip, json (a recipe), parcel',
    )
    .requiredOption(...project)
    .option('--set <key=value>', 'format=ieee, ibm or compact and revision=1 or 2 for SEG-Y', collect, [])
    .description('write an object to a file')
    .action(async (name, file, o) =>
      (await out()).exportTo(name, file, o.project, (await out()).outOptions(o.set), output),
    );
  return lithagon;
}

/** Run the command line. @returns the exit code: 0 done, 1 refused or failed, 2 wrong usage */
export async function main(args: string[], output: Output = terminal): Promise<number> {
  const flags = { json: args.includes('--json') };
  try {
    await program(output, flags).parseAsync(args, { from: 'user' });
    return 0;
  } catch (cause) {
    if (cause instanceof CommanderError) return cause.exitCode === 0 ? 0 : 2;
    if (cause instanceof UsageError) {
      output.err(cause.message);
      return 2;
    }
    return (await import('./refuse.ts')).refuse(cause, flags.json, output);
  }
}
