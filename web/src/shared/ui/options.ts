import type { SelectOption } from 'naive-ui'
import { Comment, Fragment, isVNode, Text, type VNode } from 'vue'

/** One of a list: what it stands for, and the word for it. */
export type Option = { value: unknown; word: string; disabled: boolean; group: string }
type Group = { type: 'group'; label: string; key: string; children: SelectOption[] }

function wordsOf(children: unknown): string {
  if (Array.isArray(children))
    return children.map((one) => wordsOf(isVNode(one) ? one.children : one)).join('')
  return typeof children === 'string' || typeof children === 'number' ? String(children) : ''
}

/** The `<option>`s of a slot, in order, also those of loops and groups; one without a value is its word. */
export function optionsOf(nodes: readonly VNode[], group = ''): Option[] {
  return nodes.flatMap((node) => {
    if (node.type === Comment || node.type === Text) return []
    if (node.type === Fragment) return optionsOf(node.children as VNode[], group)
    if (node.type === 'optgroup') return optionsOf(node.children as VNode[], String(node.props?.['label']))
    const word = wordsOf(node.children).replace(/\s+/g, ' ').trim()
    const { value = word, disabled } = node.props ?? {}
    return [{ value, word, disabled: disabled === '' || disabled === true, group }]
  })
}

/** Options go by their number, since what they stand for may be anything; null: none of them. */
export function numberOf(all: readonly Option[], value: unknown): number | null {
  const at = all.findIndex((one) => one.value === value)
  return at < 0 ? null : at
}

/** As Naive UI lists them, under the words of their groups. */
export function listed(all: readonly Option[]): (SelectOption | Group)[] {
  const rows = all.map(({ word, disabled, group }, at) => ({ value: at, label: word, disabled, group }))
  const groups = [...new Set(rows.map((row) => row.group))]
  if (groups.length < 2) return rows
  return groups.map((group) => ({
    type: 'group',
    label: group,
    key: group,
    children: rows.filter((row) => row.group === group),
  }))
}
