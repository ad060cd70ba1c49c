#!/usr/bin/env node
import { pathToFileURL } from 'node:url';
import { newest } from '../../../scripts/newest.mjs';

await import(pathToFileURL(newest('server')).href);
