-- The record is only ever added to.
create or replace trigger record_no_change before update on record_entry for each row signal sqlstate '45000' set message_text = 'the record is append-only';
