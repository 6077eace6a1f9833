#!/usr/bin/env node
import { builtCli } from '../../tools/build-cli.mjs'

const { main } = await import(await builtCli())
process.exitCode = await main(process.argv.slice(2))
