    // Sequences of calls of a class: each call is read with its arguments, and made later.
    enum Args {
        {variants}
    }
    struct Step {
        at: usize,        // number of its object
        uses: Vec<usize>, // arguments, and the calls that returned them
        args: Option<Args>,
    }
    fn steps(r: &mut Reader) -> Vec<Step> {
        let mut all = Vec::new();
        r.next();
        r.next();
        while !matches!(r.peek(), b']' | 0 | b'\n') && r.misfit.is_none() {
            if !all.is_empty() {
                r.next();
            }
            r.next();
            let name = String::take(r);
            r.next();
            let at = usize::take(r);
            r.next();
            let args = args(r, name.as_str());
            r.next();
            let uses = Vec::<usize>::take(r);
            r.next();
            all.push(Step { at, uses, args });
        }
        all
    }
    fn args(r: &mut Reader, name: &str) -> Option<Args> {
        Some(match name {
{reads}            _ => return None,
        })
    }
    impl Step {
        fn take(&mut self, r: &mut Reader, i: usize) {
            let args = match &mut self.args {
                Some(args) => args,
                None => return,
            };
            match (args, i) {
{again}                _ => {}
            }
        }
    }
    fn make(steps: &mut Vec<Step>, out: &mut String, times: &mut Vec<i64>, misfit: &mut Option<String>) -> Option<String> {
        let mut objects: std::collections::HashMap<usize, super::{class}> = std::collections::HashMap::new();
        let mut texts: Vec<String> = Vec::new();
        for s in steps.iter_mut() {
            for pair in s.uses.clone().chunks(2) {
                let mut r = Reader::of(&texts[pair[1]]);
                s.take(&mut r, pair[0]);
                if misfit.is_none() {
                    *misfit = r.misfit;
                }
            }
            let mut text = String::new();
            match s.args.take() {
                None => {}
                Some(args) => match args {
{makes}                },
            }
            texts.push(text);
        }
        let times: Vec<String> = times.iter().map(|t| t.to_string()).collect();
        *out = format!("[[{}],[{}]]", texts.join(","), times.join(","));
        None
    }
