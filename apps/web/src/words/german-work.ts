import checks from './de/checks.json';
import core from './de/core.json';
import features from './de/features.json';
import featuresCopies from './de/features-copies.json';
import featuresMap from './de/features-map.json';
import featuresRecords from './de/features-records.json';
import history from './de/history.json';
import requests from './de/requests.json';
import screensBatch from './de/screens-batch.json';
import screensIntakes from './de/screens-intakes.json';
import screensLedger from './de/screens-ledger.json';
import screensMailing from './de/screens-mailing.json';
import screensMailings from './de/screens-mailings.json';
import screensPaper from './de/screens-paper.json';
import screensSettings from './de/screens-settings.json';
import screensSources from './de/screens-sources.json';
import screensTemplates from './de/screens-templates.json';
import type { Messages } from './message-catalogue';

/** What is said in German on the screens beside the desk, by the part of the source that says it first. */
export const workMessages: Messages = {
  ...checks,
  ...core,
  ...features,
  ...featuresCopies,
  ...featuresMap,
  ...featuresRecords,
  ...history,
  ...requests,
  ...screensBatch,
  ...screensIntakes,
  ...screensLedger,
  ...screensMailing,
  ...screensMailings,
  ...screensPaper,
  ...screensSettings,
  ...screensSources,
  ...screensTemplates,
};
