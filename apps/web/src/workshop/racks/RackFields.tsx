/** Fields of the statement bar for what is taken from a rack: which part, its size, its parameters. */
import {
  formatAngle,
  formatLengthFinely,
  isRefusal,
  rackPartMeant,
  starterPart,
  starterRack,
  usualValues,
  wordBlank,
  type Parameter,
  type RackPart,
} from '@kadrel/core';
import { useMemo } from 'react';
import { useSession, useSessionState } from '../context.ts';
import { PickList, type FieldProps, type Option } from '../PickList.tsx';

/** The rack part that the statement is about; undefined while there is none. */
function useRackPart({ blank, statement }: Pick<FieldProps, 'blank' | 'statement'>): RackPart | undefined {
  const document = useSessionState((state) => state.document);
  const given = statement.typed[blank.of ?? 'part'];
  return useMemo(() => {
    if (given === undefined || given === '') return undefined;
    const found = rackPartMeant(given, { document, lookUp: starterPart });
    return isRefusal(found) ? undefined : found;
  }, [given, document]);
}

/** What ships, by name; parts of other racks are taken in the panel. */
export function RackPartField(props: FieldProps) {
  const { id, blank, statement } = props;
  const session = useSession();
  const document = useSessionState((state) => state.document);
  const value = statement.typed[id];
  const names = starterRack().parts.map(({ name }) => name);
  const options: Option[] = names.map((name) => ({
    key: name,
    words: name,
    choose: () =>
      session.update((s) => ({
        ...s,
        typed: { ...s.typed, [id]: name, size: starterPart(name)?.sizes[0]?.name, values: undefined },
      })),
    isChosen: value === name,
  }));
  options.push({ key: 'racks', words: 'From the racks…', choose: () => session.openRacks() });
  const isEmpty = value === undefined || value === '';
  return (
    <PickList {...props} shown={isEmpty ? 'choose…' : wordBlank(blank, value, document)} options={options} />
  );
}

/** The standard sizes of a rack part. */
export function SizeField(props: FieldProps) {
  const { id, statement } = props;
  const session = useSession();
  const part = useRackPart(props);
  const value = statement.typed[id];
  const options: Option[] = (part?.sizes ?? []).map(({ name }) => ({
    key: name,
    words: name,
    choose: () => session.setBlank(id, name),
    isChosen: value === name,
  }));
  if (part?.sizes.length === 0) return <span className="whitespace-nowrap text-ink2">one size</span>;
  options.push({
    key: 'none',
    words: 'as usual',
    choose: () => session.setBlank(id, undefined),
    isChosen: value === undefined,
  });
  return (
    <PickList
      {...props}
      shown={typeof value === 'string' && value !== '' ? value : 'as usual'}
      options={options}
    />
  );
}

/** A field for each parameter; what is left empty is as the size, or the rack part, has it. */
export function ParametersField(props: FieldProps) {
  const { id, statement, isBad } = props;
  const part = useRackPart(props);
  if (!part) return <span className="text-ink3">…</span>;
  const size = statement.typed.size;
  const usual = usualValues(part, typeof size === 'string' && size !== '' ? size : undefined) ?? {};
  const typed = statement.typed[id];
  const texts = (typeof typed === 'object' && typed !== null ? typed : {}) as Readonly<
    Record<string, string>
  >;
  return (
    <span className="inline-flex shrink-0 gap-1.5" data-blank={id}>
      {part.parameters.map((parameter) => (
        <ParameterField
          key={parameter.name}
          parameter={parameter}
          usual={usual[parameter.name]}
          text={texts[parameter.name] ?? ''}
          isBad={isBad}
          id={id}
        />
      ))}
    </span>
  );
}

interface ParameterFieldProps {
  readonly id: string;
  readonly parameter: Parameter;
  readonly usual: number | undefined;
  readonly text: string;
  readonly isBad: boolean;
}

function ParameterField({
  id,
  parameter: { name, label, kind, about },
  usual,
  text,
  isBad,
}: ParameterFieldProps) {
  const session = useSession();
  const scene = useSessionState((state) => state.document.scene);
  const type = (value: string) =>
    session.update((s) => ({
      ...s,
      typed: { ...s.typed, [id]: { ...(s.typed[id] as object | undefined), [name]: value } },
      held: new Set([...s.held, id]),
      refusal: null,
    }));
  const shown =
    usual === undefined
      ? ''
      : kind === 'length'
        ? formatLengthFinely(usual, scene)
        : kind === 'angle'
          ? formatAngle(usual)
          : String(usual);
  return (
    <label className="blank num whitespace-nowrap" data-bad={isBad} title={about ?? label}>
      <span className="text-ink2">{label}</span>
      <input
        data-parameter={name}
        aria-label={label}
        value={text}
        placeholder={shown}
        autoComplete="off"
        spellCheck={false}
        onFocus={() => session.focus({ blank: id, axis: null })}
        onChange={(event) => type(event.currentTarget.value)}
      />
    </label>
  );
}
