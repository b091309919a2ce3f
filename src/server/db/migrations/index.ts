import type { Migration } from 'kysely';
import * as siteAndMachines from './001-site-and-machines';
import * as workRecords from './002-work-records';
import * as stockAndActions from './003-stock-and-actions';
import * as everyMethod from './004-every-method';
import * as airPaths from './005-air-paths';
import * as faultCases from './006-fault-cases';
import * as jobs from './007-jobs';
import * as proofAndPhotos from './008-proof-and-photos';
import * as usageAndPlans from './009-usage-and-plans';
import * as outOfService from './010-out-of-service';
import * as dustDecides from './011-dust-decides';
import * as ledgerKeys from './012-ledger-keys';
import * as projection from './013-projection';
import * as people from './014-people';
import * as plateCoefficient from './015-plate-coefficient';
import * as registers from './016-registers';
import * as identity from './017-identity';
import * as sheets from './018-sheets';
import * as prices from './019-prices';
import * as partFile from './020-part-file';
import * as toolsAndBonding from './021-tools-and-bonding';
import * as upgrades from './022-upgrades';
import * as planPromises from './023-plan-promises';
import * as crew from './024-crew';
import * as stageStarts from './025-stage-starts';

/** Every migration, zero-padded, in order. A static map: a file provider would skip an unknown file silently. */
export const MIGRATIONS: Record<string, Migration> = {
  '001-site-and-machines': siteAndMachines,
  '002-work-records': workRecords,
  '003-stock-and-actions': stockAndActions,
  '004-every-method': everyMethod,
  '005-air-paths': airPaths,
  '006-fault-cases': faultCases,
  '007-jobs': jobs,
  '008-proof-and-photos': proofAndPhotos,
  '009-usage-and-plans': usageAndPlans,
  '010-out-of-service': outOfService,
  '011-dust-decides': dustDecides,
  '012-ledger-keys': ledgerKeys,
  '013-projection': projection,
  '014-people': people,
  '015-plate-coefficient': plateCoefficient,
  '016-registers': registers,
  '017-identity': identity,
  '018-sheets': sheets,
  '019-prices': prices,
  '020-part-file': partFile,
  '021-tools-and-bonding': toolsAndBonding,
  '022-upgrades': upgrades,
  '023-plan-promises': planPromises,
  '024-crew': crew,
  '025-stage-starts': stageStarts,
};
