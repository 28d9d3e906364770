-- The record is only ever added to.
create or replace trigger record_no_delete before delete on record_entry for each row signal sqlstate '45000' set message_text = 'the record is append-only';
