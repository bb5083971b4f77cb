import { useRouter } from 'expo-router';
import { useState } from 'react';
import type { Valve } from '@yosoku/core/cam/card';
import { readTrace } from '@yosoku/core/cam/trace';
import { type Table, type TableReading, readTable, surveyTable } from '@yosoku/core/measure/trace-table';
import { cutText } from '@yosoku/core/units/text';
import { useStation } from '@/logbook/station';
import { placeHref } from '@/shell/station-line';
import { tableOf } from './table-of';

/** Larger files are no traces, bytes. */
const MOST_BYTES = 20_000_000;

interface Given {
  readonly source: 'pasted' | 'file';
  readonly name: string | null;
  readonly table: Table;
}

type Counted = 'from-zero' | 'anyhow';

/** A trace that is being taken in: what was given, how it is understood, and what becomes of it. */
export function useTraceImport() {
  const { report, write } = useStation();
  const { build, read, zero } = report;
  const router = useRouter();
  const [given, setGiven] = useState<Given | null>(null);
  const [typed, setTyped] = useState('');
  const [trouble, setTrouble] = useState<string | null>(null);
  const [own, setOwn] = useState<Partial<TableReading>>({});
  const [valve, setValve] = useState<Valve>(read.proposal.valve);
  const [bank, setBank] = useState<'1' | '2'>('1');
  const [sitsOn, setSitsOn] = useState(read.sitsOn);
  const [counted, setCounted] = useState<Counted>('from-zero');

  const survey = given ? surveyTable(given.table) : null;
  const reading: TableReading | null = survey ? { ...survey.reading, ...own } : null;
  const points = given && reading ? readTable(given.table, reading) : null;
  const trace = points?.ok ? readTrace(points.points, { liftSd: 0.004, angleSd: 0, closes: 0.03 }) : null;

  const take = async (text: string, source: Given['source'], name: string | null): Promise<void> => {
    const { parse } = (await import('papaparse')).default;
    setOwn({});
    setTrouble(null);
    setGiven({ source, name, table: tableOf(text, (spaced, how) => parse<string[]>(spaced, how)) });
  };
  const open = async (file: File): Promise<void> => {
    setTrouble(null);
    if (file.size > MOST_BYTES) {
      setTrouble(`“${file.name}” has ${Math.round(file.size / 1e6)} MB: too large for a trace.`);
      return;
    }
    try {
      await take(await file.text(), 'file', file.name);
    } catch {
      setTrouble('The file could not be opened. Pick it again, or paste its contents below.');
    }
  };
  const paste = (text: string): void => {
    setTyped(text);
    if (text.trim() === '') setGiven(null);
    else void take(text, 'pasted', null);
  };
  const keep = (): void => {
    if (!given || !points?.ok) return;
    write('trace.recorded', {
      setting: zero.setting,
      trial: read.trial ?? write('trial.begun', { after: null }),
      cylinder: bank === '2' ? (build.engine.secondBank ?? 1) : 1,
      valve,
      sitsOn,
      approach: 'forward',
      source: given.source,
      ...(given.name ? { name: cutText(given.name, 200) } : {}),
      counted,
      points: points.points.map(({ angle, lift }): [number, number] => [angle, Math.round(lift * 1e6) / 1e6]),
    });
    router.replace(placeHref(build.id, 'read'));
  };
  return {
    given,
    typed,
    trouble,
    survey,
    reading,
    points,
    trace,
    open,
    paste,
    keep,
    change: (part: Partial<TableReading>) => setOwn({ ...own, ...part }),
    lobe: { valve, setValve, bank, setBank, sitsOn, setSitsOn, counted, setCounted },
  };
}

export type Import = ReturnType<typeof useTraceImport>;
