import createClient from 'openapi-fetch'
import type { components, paths } from './schema'
import { units } from '@/format/amounts'
import { busyUntil } from './pending'

type Schemas = components['schemas']
export type BalanceRequest = Schemas['BalanceRequest']
export type Answer = Schemas['BalanceAnswer']
export type FruitInput = Schemas['FruitInput']
export type Quantity = Schemas['Quantity']
export type Dish = Schemas['Dish']
export type Cutaway = Schemas['Cutaway']
export type Larder = Schemas['Larder']
export type FigureReading = Schemas['FigureReading']
export type Choice = Schemas['Choice']
export type ChoiceName = Schemas['ChoiceName']
export type FigureForm = Schemas['FigureForm']
export type Kitchen = Schemas['Kitchen']
export type Settings = Schemas['Settings']
export type Own = Schemas['Own']
export type OwnRow = Schemas['OwnRow']
export type Pairings = Schemas['Pairings']
export type Alternative = Schemas['Alternative']
export type StartOption = Schemas['StartAnswer']['options'][number]
export type RecipeRow = Schemas['RecipeRow']
export type RecipeBowl = Schemas['RecipeBowl']
export type LineRequest = Schemas['RecipeRequest']['lines'][number]
export type RecipeReading = Schemas['RecipeReading']
export type RecipeStep = Schemas['RecipeStep']
export type DietRequest = Schemas['DietRequest']
export type DietProposal = Schemas['DietProposal']
export type Verdict = Schemas['RecipeVerdict']
export type ShortVerdict = Pick<Schemas['Verdict'], 'level' | 'summary'>
export type ImportedDocument = Schemas['ImportedDocument']
export type Original = Schemas['Original']
export type WholeCard = Schemas['WholeCard']
export type FileFormat = Schemas['FileFormat']
export type Sheet = NonNullable<
  paths['/api/v1/print.pdf']['post']['requestBody']['content']['application/json']['sheet']
>
export type Stage = Schemas['Stage']
export type BakeAlternative = Schemas['BakeAlternative']
export type PlanAnswer = Schemas['PlanAnswer']
export type BakeChange = Schemas['BakeChange']
export type Basis = Schemas['Basis']
export type KitchenDish = Schemas['KitchenDish']
export type Oven = Schemas['Oven']
export type KitchenOven = Schemas['KitchenOven']
export type OvenTrial = Schemas['OvenTrial']
export type OvenMeasured = Schemas['OvenMeasured']
export type Watch = Schemas['Watch']
export type WatchedDessert = Schemas['WatchedDessert']
export type WatchCall = Schemas['WatchCall']
export type WatchStart = Schemas['WatchStart']
export type CallAnswer = Schemas['CallAnswer']
export type Rescue = Schemas['Rescue']
export type Card = Schemas['Card']
export type ListedCard = Schemas['ListedCard']
export type Version = Schemas['Version']
export type Setting = Schemas['Setting']
export type Bake = Schemas['Bake']
export type BakeChart = Schemas['BakeChart']
export type NewBake = Schemas['NewBake']
export type Outcome = Schemas['Outcome']
export type Explanation = Schemas['Explanation']
export type Comparison = Schemas['Comparison']
export type WeighedLine = Schemas['WeighedLine']
export type ScaleReading = Schemas['ScaleReading']
export type ScaleChange = Schemas['ScaleChange']
export type StoredDay = Schemas['Day']
export type DayOrders = Schemas['DayOrders']
export type DayOrder = Schemas['DayOrder']
export type DayRow = Schemas['DayRow']
export type DaySchedule = Schemas['DaySchedule']
export type DayBar = Schemas['DayBar']
export type DayRemedy = Schemas['DayRemedy']
export type DayClash = Schemas['DayClash']
export type DayPin = Schemas['DayPin']
export type Resources = Schemas['Resources']
export type Crowd = Schemas['Crowd']
export type HowMany = Schemas['HowMany']
export type KitchenFindings = Schemas['KitchenFindings']
export type LearningPreferences = Schemas['LearningPreferences']
export type Finding = Schemas['Finding']
export type DessertForecast = Schemas['DessertForecast']
export type OtherCost = Schemas['OtherCost']
export type CardUse = Schemas['CardUse']
export type ParameterHistory = Schemas['ParameterHistory']
export type BenchRequest = Schemas['BenchRequest']
export type ResourceSettings = Schemas['ResourceSettings']
export type Stock = Schemas['Stock']
export type ShoppingList = Schemas['ShoppingList']
export type CardLabel = Schemas['CardLabel']
export type CardCounts = Schemas['CardCounts']
export type ReadyByRequest = Schemas['ReadyByRequest']
export type ReadyBy = Schemas['ReadyBy']
export type TwoSettings = Schemas['TwoSettings']
export type DessertCost = Schemas['DessertCost']
export type Problem = Schemas['Problem']
export type Work = Schemas['Work']
export type Unusable = Schemas['Unusable']
export type FieldProblem = Schemas['FieldProblem']
export type AmountKind = Schemas['AmountRequest']['kind']
export type Band = Schemas['Band']
export type Remark = Answer['remarks'][number]
export type Doing = Answer['checks'][number]
export type Bowl = Answer['ticket'][number]

/** Every answer is in the words and units that the kitchen reads. */
const inReading = (query: object) =>
  new URLSearchParams(
    Object.entries({ ...query, ...units }).filter(([, value]) => value !== undefined && value !== null),
  ).toString()

export const api = createClient<paths>({ baseUrl: '/', querySerializer: inReading })

/** What the page says when no answer came at all. */
export const unreachable: Problem = {
  type: 'about:blank',
  title: "Mabbin can't be reached. What you entered is stored here.",
  status: 0,
}

/** Whether no answer came at all: what was asked for may have been done. */
export const unanswered = (p: Problem) => p.status === unreachable.status

/** A problem in a sentence: what, and each wrong field. */
export const inWords = (p: Problem) => [p.title, ...(p.errors ?? []).map((e) => e.text)].join(': ')

/** What is wrong, without what could not be done for it. */
export const reasonOf = (p: Problem) =>
  (p.errors?.length ? p.errors.map((e) => e.text) : [p.title]).join('; ')

/** What is wrong with one field of what was sent; empty where nothing is. */
export const faultAt = (p: Problem | undefined, pointer: string) =>
  p?.errors?.find((e) => e.pointer === `#${pointer}`)?.detail ?? ''

/** The data of an answer, or the problem. A request that got no answer is a problem of status 0. */
export function ask<T>(call: Promise<{ data?: T; error?: Problem; response: Response }>) {
  return busyUntil(answerOf(call))
}

async function answerOf<T>(
  call: Promise<{ data?: T; error?: Problem; response: Response }>,
): Promise<{ data: T; problem?: undefined } | { data?: undefined; problem: Problem }> {
  try {
    const { data, error, response } = await call
    if (data !== undefined) return { data }
    const titled = typeof error === 'object' && error !== null && 'title' in error
    return {
      problem: titled ? error : { ...unreachable, title: response.statusText, status: response.status },
    }
  } catch {
    return { problem: unreachable }
  }
}

/** The header of a change that is made upon a revision; without one it is made upon whatever is there. */
export const upon = (revision: string | undefined) => (revision ? { 'If-Match': revision } : {})

/** An answer without a body, as one that has one: it is there, or there is a problem. */
export const withoutBody = <R extends { error?: Problem; response: Response }>(call: Promise<R>) =>
  call.then((r) => ({ error: r.error, response: r.response, data: r.response.ok ? {} : undefined }))
