-- News leads to a page, whether a round stands behind it or not.
alter table outbox_event add column if not exists to_page varchar(200) not null default '';
