;; Colours all divisions of parts among one set of ingredients: four bands at a time.
;; R = S / ((1 − k2)·S + K + √(K(K + 2S))), X = Σ wx·R and so on; the weights carry Saunderson's
;; factor and the white. All numbers are 32 bit floats, 36 bands to a curve.
(module
  (memory (export "memory") 1)
  (func (export "colour")
    (param $count i32)    ;; recipes
    (param $size i32)     ;; ingredients in each
    (param $curves i32)   ;; addresses of each ingredient's K, S follows 144 bytes on
    (param $parts i32)    ;; count × size floats
    (param $weights i32)  ;; x, y, z weights, 36 each
    (param $out i32)      ;; count × X, Y, Z
    (local $g i32) (local $k i32) (local $at i32) (local $p v128)
    (local $K v128) (local $S v128) (local $R v128) (local $X v128) (local $Y v128) (local $Z v128)
    (block $done
      (loop $recipe
        (br_if $done (i32.eqz (local.get $count)))
        (local.set $X (v128.const f32x4 0 0 0 0))
        (local.set $Y (v128.const f32x4 0 0 0 0))
        (local.set $Z (v128.const f32x4 0 0 0 0))
        (local.set $g (i32.const 0))
        (loop $bands
          (local.set $K (v128.const f32x4 0 0 0 0))
          (local.set $S (v128.const f32x4 0 0 0 0))
          (local.set $k (i32.const 0))
          (loop $ingredient
            (local.set $p (v128.load32_splat (i32.add (local.get $parts) (local.get $k))))
            (local.set $at (i32.add (i32.load (i32.add (local.get $curves) (local.get $k))) (local.get $g)))
            (local.set $K (f32x4.add (local.get $K) (f32x4.mul (local.get $p) (v128.load (local.get $at)))))
            (local.set $S (f32x4.add (local.get $S) (f32x4.mul (local.get $p) (v128.load offset=144 (local.get $at)))))
            (local.set $k (i32.add (local.get $k) (i32.const 4)))
            (br_if $ingredient (i32.lt_u (local.get $k) (i32.shl (local.get $size) (i32.const 2)))))
          (local.set $R
            (f32x4.div (local.get $S)
              (f32x4.add
                (f32x4.add (f32x4.mul (local.get $S) (v128.const f32x4 0.4 0.4 0.4 0.4)) (local.get $K))
                (f32x4.sqrt
                  (f32x4.mul (local.get $K)
                    (f32x4.add (local.get $K) (f32x4.add (local.get $S) (local.get $S))))))))
          (local.set $at (i32.add (local.get $weights) (local.get $g)))
          (local.set $X (f32x4.add (local.get $X) (f32x4.mul (local.get $R) (v128.load (local.get $at)))))
          (local.set $Y (f32x4.add (local.get $Y) (f32x4.mul (local.get $R) (v128.load offset=144 (local.get $at)))))
          (local.set $Z (f32x4.add (local.get $Z) (f32x4.mul (local.get $R) (v128.load offset=288 (local.get $at)))))
          (local.set $g (i32.add (local.get $g) (i32.const 16)))
          (br_if $bands (i32.lt_u (local.get $g) (i32.const 144))))
        (f32.store (local.get $out) (call $sum (local.get $X)))
        (f32.store offset=4 (local.get $out) (call $sum (local.get $Y)))
        (f32.store offset=8 (local.get $out) (call $sum (local.get $Z)))
        (local.set $out (i32.add (local.get $out) (i32.const 12)))
        (local.set $parts (i32.add (local.get $parts) (i32.shl (local.get $size) (i32.const 2))))
        (local.set $count (i32.sub (local.get $count) (i32.const 1)))
        (br $recipe))))
  (func $sum (param $v v128) (result f32)
    (f32.add
      (f32.add (f32x4.extract_lane 0 (local.get $v)) (f32x4.extract_lane 1 (local.get $v)))
      (f32.add (f32x4.extract_lane 2 (local.get $v)) (f32x4.extract_lane 3 (local.get $v))))))
