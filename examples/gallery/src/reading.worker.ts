import { readForPages } from 'dapplo/worker'

readForPages()
