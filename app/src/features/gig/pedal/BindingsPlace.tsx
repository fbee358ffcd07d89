// All that is bound, in one table: what is touched, what it does, and what is bound twice.

import { useMemo, useState } from 'react';
import { useMedia, View } from '@tamagui/core';
import {
  createColumnHelper,
  flexRender,
  getCoreRowModel,
  getFilteredRowModel,
  getSortedRowModel,
  useReactTable,
  type Header,
  type Row as TableRow,
  type SortingState,
} from '@tanstack/react-table';
import { bindingsOf, type Binding } from '@hovlix/core/bindings';
import type { Control } from '@hovlix/core/gig';
import { useMay, useShow } from '../../../host/hovlix';
import { Field } from '../../../ui/Field';
import { usePalette } from '../../../ui/palette';
import { Column, Quiet, Row, Words } from '../../../ui/pieces';
import { GigPage } from '../stage/GigPage';
import { BINDINGS } from './bindings-words';
import { ControlSheet } from './ControlSheet';
import { OF_PADS, OF_THE_APP } from './own-keys';

const column = createColumnHelper<Binding>();
const COLUMNS = (['trigger', 'how', 'does', 'where'] as const).map((name) =>
  column.accessor(name, { header: BINDINGS.columns[name] }),
);

export function BindingsPlace() {
  const { wide } = useMedia();
  const show = useShow((one) => one);
  const may = useMay('operator');
  const [find, setFind] = useState('');
  const [sorting, setSorting] = useState<SortingState>([]);
  const [open, setOpen] = useState<Control['id'] | null>(null);
  const data = useMemo(() => [...(show ? bindingsOf(show, OF_PADS, OF_THE_APP) : [])], [show]);
  // It gives functions that change with each render, which is what this page wants.
  // oxlint-disable-next-line react/incompatible-library
  const table = useReactTable({
    data,
    columns: COLUMNS,
    state: { globalFilter: find, sorting },
    onSortingChange: setSorting,
    getRowId: ({ id }) => id,
    getCoreRowModel: getCoreRowModel(),
    getFilteredRowModel: getFilteredRowModel(),
    getSortedRowModel: getSortedRowModel(),
  });
  if (!show) return null;
  const { rows } = table.getRowModel();
  const clashes = data.filter(({ clash }) => clash !== '').length;
  const shown = show.controls.find(({ id }) => id === open);
  const change = may ? setOpen : undefined;
  return (
    <>
      <GigPage title={BINDINGS.title}>
        <Field label={BINDINGS.find} placeholder={BINDINGS.hint} value={find} onChange={setFind} />
        {clashes > 0 && (
          <Quiet role="status" color="$warn">
            {BINDINGS.clashes(clashes)}
          </Quiet>
        )}
        {rows.length === 0 && <Quiet>{BINDINGS.none}</Quiet>}
        {rows.length > 0 &&
          (wide ? (
            <Wide headers={table.getHeaderGroups()[0]!.headers} rows={rows} onChange={change} />
          ) : (
            <Narrow rows={rows} onChange={change} />
          ))}
      </GigPage>
      {shown && may && <ControlSheet key={shown.id} show={show} control={shown} onClose={() => setOpen(null)} />}
    </>
  );
}

type Rows = {
  readonly rows: readonly TableRow<Binding>[];
  readonly onChange: ((control: Control['id']) => void) | undefined;
};

/** On a phone: what is touched, and below it what that does. */
function Narrow({ rows, onChange }: Rows) {
  return (
    <Column role="list" aria-label={BINDINGS.title}>
      {rows.map(({ id, original }) => (
        <Column key={id} role="listitem" gap={2} paddingVertical={10} borderBottomWidth={1} borderColor="$line">
          <Trigger binding={original} onChange={onChange} />
          <Words>{original.does}</Words>
          <Quiet>{[original.how, original.where].filter(Boolean).join(' · ')}</Quiet>
        </Column>
      ))}
    </Column>
  );
}

const CELL = { padding: '8px 12px 8px 0', textAlign: 'left', verticalAlign: 'middle' } as const;

/** A table of the browser: readers walk it by row and column. */
function Wide({ headers, rows, onChange }: Rows & { readonly headers: readonly Header<Binding, unknown>[] }) {
  const palette = usePalette();
  const line = `1px solid ${palette.line}`;
  return (
    <table aria-label={BINDINGS.title} style={{ width: '100%', borderCollapse: 'collapse' }}>
      <thead>
        <tr>
          {headers.map((header) => (
            <SortHead key={header.id} header={header} line={line} />
          ))}
        </tr>
      </thead>
      <tbody>
        {rows.map(({ id, original }) => (
          <tr key={id} style={{ borderBottom: line }}>
            <td style={CELL}>
              <Trigger binding={original} onChange={onChange} />
            </td>
            <td style={CELL}>
              <Quiet>{original.how}</Quiet>
            </td>
            <td style={CELL}>
              <Words>{original.does}</Words>
            </td>
            <td style={CELL}>
              <Quiet>{original.where}</Quiet>
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

const SORTED = { asc: 'ascending', desc: 'descending' } as const;

function SortHead({ header, line }: { readonly header: Header<Binding, unknown>; readonly line: string }) {
  const sorted = header.column.getIsSorted();
  return (
    <th scope="col" aria-sort={sorted ? SORTED[sorted] : 'none'} style={{ ...CELL, borderBottom: line, padding: 0 }}>
      <View
        render="button"
        onPress={() => header.column.toggleSorting()}
        minHeight={44}
        width="100%"
        justifyContent="center"
        alignItems="flex-start"
        padding={0}
        borderWidth={0}
        backgroundColor="transparent"
        cursor="pointer"
      >
        <Quiet fontWeight="600" color={sorted ? '$text' : '$quiet'}>
          {flexRender(header.column.columnDef.header, header.getContext())}
          {sorted ? (sorted === 'asc' ? ' ↑' : ' ↓') : ''}
        </Quiet>
      </View>
    </th>
  );
}

/** What is touched; a control leads to its own page. What is bound twice says so. */
function Trigger({ binding, onChange }: { readonly binding: Binding; readonly onChange: Rows['onChange'] }) {
  const { trigger, clash, control } = binding;
  const name = (
    <Words fontWeight="600" textAlign="left" {...(control && onChange ? { textDecorationLine: 'underline' } : {})}>
      {trigger.charAt(0).toUpperCase() + trigger.slice(1)}
    </Words>
  );
  return (
    <Column gap={2}>
      {control && onChange ? (
        <Row>
          <View
            render="button"
            aria-label={BINDINGS.change(trigger)}
            onPress={() => onChange(control)}
            minHeight={44}
            minWidth={44}
            justifyContent="center"
            padding={0}
            borderWidth={0}
            backgroundColor="transparent"
            cursor="pointer"
          >
            {name}
          </View>
        </Row>
      ) : (
        name
      )}
      {clash !== '' && <Quiet color="$warn">{clash}</Quiet>}
    </Column>
  );
}
