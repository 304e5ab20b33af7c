/** `npm run soak [services] [seconds] [kills]`. */
import { killFigures, soakFigures, stepFigures } from './soak.mts'

const [services = 50, seconds = 300, kills = 200] = process.argv.slice(2).map(Number)
let bad = false
const figure = (name: string, value: number, unit: string) => {
  console.log(JSON.stringify({ name, value: Math.round(value * 1e4) / 1e4, unit }))
  if (/lost|differences|too_many/.test(name) && value > 0) bad = true
}
await soakFigures(figure, services, seconds)
await killFigures(figure, kills)
await stepFigures(figure, kills)
process.exit(bad ? 1 : 0)
