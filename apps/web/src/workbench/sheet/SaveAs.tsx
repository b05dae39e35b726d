import type { EarthObject, OutOptions } from '@lithagon/core';
import { useState } from 'react';
import { Button } from '../../ui/Button';
import { Select } from '../../ui/Field';
import css from './Sheet.module.css';
import { saveFormats, saveObject } from './save';

/** The open formats that an object can leave in; SEG-Y leaves a choice of samples and revision. */
export function SaveAs({ object }: { object: EarthObject }) {
  const [options, setOptions] = useState<OutOptions>({ format: 'ieee', revision: '1' });
  const formats = saveFormats(object);
  if (Object.keys(formats).length === 0) return null;
  return (
    <>
      <h3>Save as</h3>
      <div className={css.saves}>
        {Object.entries(formats).map(([extension, title]) => (
          <Button small key={extension} onClick={() => void saveObject(object, extension, options)}>
            {title}
          </Button>
        ))}
      </div>
      {'sgy' in formats && (
        <div className={css.declare}>
          <div>
            <span>Samples</span>
            <Select
              label="SEG-Y samples"
              value={options.format ?? 'ieee'}
              options={[
                { value: 'ieee', label: 'IEEE floats' },
                { value: 'ibm', label: 'IBM floats' },
                { value: 'compact', label: '16-bit integers' },
              ]}
              onChange={(format) => setOptions({ ...options, format: format as OutOptions['format'] })}
            />
          </div>
          <div>
            <span>Revision</span>
            <Select
              label="SEG-Y revision"
              value={options.revision ?? '1'}
              options={[
                { value: '1', label: '1 (2002)' },
                { value: '2', label: '2.0 (2017)' },
              ]}
              onChange={(revision) => setOptions({ ...options, revision: revision as OutOptions['revision'] })}
            />
          </div>
        </div>
      )}
    </>
  );
}
