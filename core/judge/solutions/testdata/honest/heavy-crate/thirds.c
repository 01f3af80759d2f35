#include <stdlib.h>

int balance(int *left, int leftSize, int *right, int rightSize);

int heavyCrate(int n) {
    int low = 0, high = n; /* it is one of low to high - 1 */
    int left[300], right[300];
    while (high - low > 1) {
        int third = (high - low + 2) / 3, k = third;
        if (low + 2 * k > high) k = (high - low) / 2;
        for (int i = 0; i < k; i++) {
            left[i] = low + i;
            right[i] = low + k + i;
        }
        int heavier = balance(left, k, right, k);
        if (heavier > 0) high = low + k;
        else if (heavier < 0) low += k, high = low + k;
        else low += 2 * k;
    }
    return low;
}
