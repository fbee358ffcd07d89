;; The best way through (moment, interval), some steps of it: paths.ts says what is looked for, and where all lies.
(module
  (memory (export "memory") 8)
  (func (export "follow")
    (param $step i32) (param $end i32) (param $low i32) (param $high i32)
    (param $threshold f64) (param $most f64)
    (param $earned i32) (param $arrived i32) (param $came i32) (param $ranges i32) (param $prices i32)
    (param $strength i32) (param $tops i32) (param $bytes i32)
    (local $i i32) (local $start i32) (local $topAt i32) (local $row i32) (local $at i32) (local $last i32) (local $price i32)
    (local $strong f64) (local $value f32) (local $top f32) (local $jumped f64)
    (local $values v128) (local $left v128) (local $was v128) (local $better v128) (local $k v128)
    (loop $steps
      (local.set $strong (f64.promote_f32 (f32.load (local.get $strength))))
      (local.set $top (f32.const -inf))
      (local.set $topAt (i32.const 0))
      ;; What a beat here has earned, by the interval over which it is reached.
      (local.set $i (local.get $low))
      (loop $intervals
        (local.set $start (i32.sub (i32.sub (local.get $step) (local.get $i)) (i32.const 22)))
        (local.set $value (f32.demote_f64 (f64.sub
          (f64.add
            (if (result f64) (i32.ge_s (local.get $start) (i32.const 0))
              (then (f64.promote_f32 (f32.load (i32.add (local.get $earned) (i32.shl
                (i32.add (i32.mul (i32.and (local.get $start) (i32.const 255)) (i32.const 144)) (local.get $i))
                (i32.const 2))))))
              (else (f64.const 0)))
            (local.get $strong))
          (local.get $threshold))))
        (f32.store (i32.add (local.get $arrived) (i32.shl (local.get $i) (i32.const 2))) (local.get $value))
        (if (f32.gt (local.get $value) (local.get $top))
          (then (local.set $top (local.get $value)) (local.set $topAt (local.get $i))))
        (local.set $i (i32.add (local.get $i) (i32.const 1)))
        (br_if $intervals (i32.le_s (local.get $i) (local.get $high))))
      (f32.store (local.get $tops) (local.get $top))
      (i32.store offset=4 (local.get $tops) (local.get $topAt))
      ;; A jump from anywhere costs the most there is.
      (local.set $jumped (f64.sub (f64.promote_f32 (local.get $top)) (local.get $most)))
      (local.set $values (f32x4.splat (f32.demote_f64 (local.get $jumped))))
      (local.set $k (i32x4.splat (local.get $topAt)))
      (local.set $row (i32.add (local.get $earned)
        (i32.mul (i32.and (local.get $step) (i32.const 255)) (i32.const 576))))
      (local.set $at (i32.const 0))
      (loop $filled
        (v128.store (i32.add (local.get $row) (local.get $at)) (local.get $values))
        (v128.store (i32.add (local.get $came) (local.get $at)) (local.get $k))
        (local.set $at (i32.add (local.get $at) (i32.const 16)))
        (br_if $filled (i32.lt_u (local.get $at) (i32.const 576))))
      ;; What is left of it once the next interval has been paid for.
      (local.set $i (local.get $low))
      (loop $intervals
        (local.set $value (f32.load (i32.add (local.get $arrived) (i32.shl (local.get $i) (i32.const 2)))))
        (if (f64.gt (f64.promote_f32 (local.get $value)) (local.get $jumped))
          (then
            (local.set $values (f32x4.splat (local.get $value)))
            (local.set $k (i32x4.splat (local.get $i)))
            (local.set $at (i32.load (i32.add (local.get $ranges) (i32.shl (local.get $i) (i32.const 3)))))
            (local.set $last (i32.load offset=4 (i32.add (local.get $ranges) (i32.shl (local.get $i) (i32.const 3)))))
            (local.set $price (i32.add (local.get $prices) (i32.mul (local.get $i) (i32.const 576))))
            (loop $next
              (local.set $was (v128.load (i32.add (local.get $row) (local.get $at))))
              (local.set $left (f32x4.sub (local.get $values)
                (v128.load (i32.add (local.get $price) (local.get $at)))))
              (local.set $better (f32x4.gt (local.get $left) (local.get $was)))
              (v128.store (i32.add (local.get $row) (local.get $at))
                (v128.bitselect (local.get $left) (local.get $was) (local.get $better)))
              (v128.store (i32.add (local.get $came) (local.get $at))
                (v128.bitselect (local.get $k) (v128.load (i32.add (local.get $came) (local.get $at))) (local.get $better)))
              (local.set $at (i32.add (local.get $at) (i32.const 16)))
              (br_if $next (i32.le_s (local.get $at) (local.get $last))))))
        (local.set $i (i32.add (local.get $i) (i32.const 1)))
        (br_if $intervals (i32.le_s (local.get $i) (local.get $high))))
      ;; Where each came from, as bytes.
      (local.set $at (i32.const 0))
      (loop $narrowed
        (local.set $i (i32.add (local.get $came) (i32.shl (local.get $at) (i32.const 2))))
        (v128.store (i32.add (local.get $bytes) (local.get $at))
          (i8x16.narrow_i16x8_u
            (i16x8.narrow_i32x4_s (v128.load (local.get $i)) (v128.load offset=16 (local.get $i)))
            (i16x8.narrow_i32x4_s (v128.load offset=32 (local.get $i)) (v128.load offset=48 (local.get $i)))))
        (local.set $at (i32.add (local.get $at) (i32.const 16)))
        (br_if $narrowed (i32.lt_u (local.get $at) (i32.const 144))))
      (local.set $strength (i32.add (local.get $strength) (i32.const 4)))
      (local.set $tops (i32.add (local.get $tops) (i32.const 8)))
      (local.set $bytes (i32.add (local.get $bytes) (i32.const 144)))
      (local.set $step (i32.add (local.get $step) (i32.const 1)))
      (br_if $steps (i32.lt_u (local.get $step) (local.get $end))))))
