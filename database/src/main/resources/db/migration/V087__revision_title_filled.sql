update revision r join item i on i.id = r.item set r.title = i.title where r.title = '';
