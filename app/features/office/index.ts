/**
 * Every screen of the office in one chunk: a member needs nearly all of them, and what two of its screens share would
 * otherwise be loaded by people who only sign.
 */
export { WhatChanged } from '../changes/what-changed';
export { VerifyScreen } from '../verify/verify-screen';
export { CameBack } from '../deals/came-back';
export { DealPlace } from '../deals/deal-place';
export { DealsPlace } from '../deals/deals-place';
export { NewDeal } from '../deals/new-deal';
export { FirmPlace } from '../firm/firm-place';
export { IncomingPlace } from '../incoming/incoming-place';
export { ImportPlace } from '../imports/import-place';
export { InsightPlace } from '../insight/insight-place';
export { MailroomPlace } from '../mailroom/mailroom-place';
export { MessagePlace } from '../mailroom/message-place';
export { NewNotice } from '../notices/new-notice';
export { NoticePlace } from '../notices/notice-place';
export { NoticesPlace } from '../notices/notices-place';
export { OfficeFrame } from '../frame/frame';
export { SetUp } from './setup';
export { SignIn } from './sign-in';
export { Forgot, Join, Reset } from './ways-in';
export { PeoplePlace } from '../people/people-place';
export { PersonPlace } from '../people/person-place';
export { RulePlace } from '../rules/rule-place';
export { RulesPlace } from '../rules/rules-place';
export { FormPlace } from '../forms/form-place';
export { KitPlace } from '../shelf/kit-place';
export { NewKit } from '../shelf/new-kit';
export { SeveralDeals } from '../shelf/several';
export { ShelfPlace } from '../shelf/shelf-place';
export { UseKit } from '../shelf/use-kit';
export { TodayPlace } from '../today/today-place';
export { PacketPlace } from '../packet/packet-place';
