-- What a kind's documents are in a change: papers that changes write, not files that people bring.
alter table kind add column if not exists paper varchar(12) null;
update kind set paper = 'ORDER' where code = 'change-order' and paper is null;
update kind set paper = 'NOTICE' where code = 'change-notice' and paper is null;
