package learn

import "math"

// matrix is square, row by row.
type matrix struct {
	n int
	a []float64
}

func newMatrix(n int) matrix             { return matrix{n, make([]float64, n*n)} }
func (m matrix) at(i, j int) float64     { return m.a[i*m.n+j] }
func (m matrix) add(i, j int, x float64) { m.a[i*m.n+j] += x }
func (m matrix) set(i, j int, x float64) { m.a[i*m.n+j] = x }
func (m matrix) clone() matrix           { return matrix{m.n, append([]float64(nil), m.a...)} }
func (m matrix) row(i int) []float64     { return m.a[i*m.n : (i+1)*m.n] }

// times is m x.
func (m matrix) times(x []float64) []float64 {
	out := make([]float64, m.n)
	for i := range out {
		for j, v := range m.row(i) {
			out[i] += v * x[j]
		}
	}
	return out
}

// quadratic is xT m x.
func (m matrix) quadratic(x []float64) float64 { return dot(x, m.times(x)) }

func dot(a, b []float64) (sum float64) {
	for i := range a {
		sum += a[i] * b[i]
	}
	return sum
}

// cholesky is the lower triangle L of m = L LT; false where m is not positive definite.
func (m matrix) cholesky() (matrix, bool) {
	l := newMatrix(m.n)
	for i := range m.n {
		for j := range i + 1 {
			x := m.at(i, j) - dot(l.row(i)[:j], l.row(j)[:j])
			if i == j {
				if !(x > 0) {
					return l, false
				}
				l.set(i, i, math.Sqrt(x))
			} else {
				l.set(i, j, x/l.at(j, j))
			}
		}
	}
	return l, true
}

// solve is x in L LT x = b, of a Cholesky factor.
func (m matrix) solve(b []float64) []float64 {
	x := append([]float64(nil), b...)
	for i := range m.n {
		x[i] = (x[i] - dot(m.row(i)[:i], x[:i])) / m.at(i, i)
	}
	for i := m.n - 1; i >= 0; i-- {
		for j := i + 1; j < m.n; j++ {
			x[i] -= m.at(j, i) * x[j]
		}
		x[i] /= m.at(i, i)
	}
	return x
}

// inverse of L LT.
func (m matrix) inverse() matrix {
	out := newMatrix(m.n)
	e := make([]float64, m.n)
	for j := range m.n {
		clear(e)
		e[j] = 1
		for i, x := range m.solve(e) {
			out.set(i, j, x)
		}
	}
	return out
}
