import { kitFacesSchema } from '@heliaster/core/kit'
import type { DocumentPage, DocumentSummary, Kind } from '@heliaster/core/kit'
import type { DataSource, SelectQueryBuilder } from 'typeorm'

import { documentRows } from '../rows'
import type { DocumentRow } from '../rows'

export interface PageWanted {
  /** Where the page before ended; the newest ones without. */
  readonly after?: string
  /** Only what was touched since, in milliseconds since 1970; what was taken off the list is told too. */
  readonly since?: number
  /** Whether the documents come along. */
  readonly whole: boolean
  /** How long the texts of a whole page may be together. */
  readonly mostBytes?: number
}

const PAGE = 200
const MOST_BYTES = 2 * 1024 * 1024
/** Clocks of several servers, and transactions that were under way while a list was read. */
const OVERLAP_MS = 10_000

type Listed = Pick<DocumentRow, 'id' | 'name' | 'revision' | 'summary' | 'changedAt' | 'touchedAt' | 'deletedAt'> & { length: number }

/** Reads part of a list. No document is parsed: columns and a stored summary say what a list shows. */
export async function readPage(database: DataSource, kind: Kind, wanted: PageWanted): Promise<DocumentPage> {
  const readAt = Date.now()
  const rows = await listed(database, kind, wanted)
  const cut = wanted.whole ? fitting(rows, wanted.mostBytes ?? MOST_BYTES) : rows
  const last = cut[cut.length - 1]
  const isMore = cut.length < rows.length || rows.length === PAGE
  const texts = wanted.whole && cut.length > 0 ? await textsOf(database, kind, cut) : undefined
  return { items: cut.map((row) => summaryOf(row, kind, texts)), readAt, ...(isMore && last ? { next: cursorOf(last, wanted) } : {}) }
}

async function listed(database: DataSource, kind: Kind, { after, since }: PageWanted): Promise<Listed[]> {
  const order = since === undefined ? 'changedAt' : 'touchedAt'
  const query: SelectQueryBuilder<DocumentRow> = database
    .getRepository(documentRows)
    .createQueryBuilder('d')
    .select(['id', 'name', 'revision', 'summary', 'changedAt', 'touchedAt', 'deletedAt'].map((column) => `d.${column} AS ${column}`))
    .addSelect('LENGTH(d.json)', 'length')
    .where('d.kind = :kind', { kind })
    .orderBy(`d.${order}`, 'DESC')
    .addOrderBy('d.id', 'ASC')
    .limit(PAGE)
  if (since === undefined) query.andWhere('d.deletedAt IS NULL')
  else query.andWhere('d.touchedAt >= :since', { since: new Date(since - OVERLAP_MS) })
  const from = after === undefined ? undefined : /^(\d+)[.](.+)$/.exec(after)
  if (from) query.andWhere(`(d.${order} < :at OR (d.${order} = :at AND d.id > :id))`, { at: new Date(Number(from[1])), id: from[2] })
  return query.getRawMany<Listed>()
}

/** As many rows as fit, one at least. */
function fitting(rows: readonly Listed[], mostBytes: number): readonly Listed[] {
  let bytes = 0
  const most = rows.findIndex((row, i) => (bytes += Number(row.length)) > mostBytes && i > 0)
  return most < 0 ? rows : rows.slice(0, most)
}

async function textsOf(database: DataSource, kind: Kind, rows: readonly Listed[]): Promise<Map<string, string>> {
  const found = await database
    .getRepository(documentRows)
    .createQueryBuilder('d')
    .select(['d.id AS id', 'd.json AS json'])
    .where('d.kind = :kind AND d.id IN (:...ids)', { kind, ids: rows.map((row) => row.id) })
    .getRawMany<{ id: string; json: string }>()
  return new Map(found.map(({ id, json }) => [id, json]))
}

function summaryOf(row: Listed, kind: Kind, texts: ReadonlyMap<string, string> | undefined): DocumentSummary {
  const { id, name, revision } = row
  const text = texts?.get(id)
  return {
    id,
    name,
    revision,
    changedAt: row.changedAt.getTime(),
    deleted: row.deletedAt !== null,
    ...(kind === 'kit' ? { kit: facesIn(row.summary) } : {}),
    ...(text === undefined ? {} : { doc: unread(text) }),
  }
}

/** What cannot even be taken apart is told as it is: whoever reads the list sets it apart. */
function unread(text: string): unknown {
  try {
    return JSON.parse(text)
  } catch {
    return text
  }
}

function cursorOf(row: Listed, { since }: PageWanted): string {
  return `${(since === undefined ? row.changedAt : row.touchedAt).getTime()}.${row.id}`
}

function facesIn(summary: string): DocumentSummary['kit'] {
  const parsed = kitFacesSchema.safeParse(JSON.parse(summary))
  return parsed.success ? parsed.data : undefined
}
